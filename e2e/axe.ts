import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';

const axe = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');

/** What axe calls serious or critical on this page. */
export async function seriousIssues(page: Page): Promise<string[]> {
  await page.evaluate(axe);
  return page.evaluate(async () => {
    const { axe: checker } = window as unknown as {
      axe: {
        run: () => Promise<{
          violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
        }>;
      };
    };
    const { violations } = await checker.run();
    return violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map((v) => `${v.id}: ${v.nodes.map((n) => `${n.html} ${n.failureSummary}`).join(' | ')}`);
  });
}
