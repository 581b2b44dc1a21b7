import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';

const axe = readFileSync('node_modules/axe-core/axe.min.js', 'utf8');

/** Rules whose answer depends on the colours of the page. */
export const RULES_OF_COLOUR = ['color-contrast', 'link-in-text-block'] as const;

/** What axe calls serious or critical on this page; `rules`: these only. */
export async function seriousIssues(page: Page, rules?: readonly string[]): Promise<string[]> {
  if (!(await page.evaluate('"axe" in window'))) await page.evaluate(axe);
  return page.evaluate(async (only) => {
    const { axe: checker } = window as unknown as {
      axe: {
        run: (options: object) => Promise<{
          violations: { id: string; impact: string; nodes: { html: string; failureSummary: string }[] }[];
        }>;
      };
    };
    // What is good is not described, node by node, for nobody to read.
    const { violations } = await checker.run({ resultTypes: ['violations'], ...(only ? { runOnly: only } : {}) });
    return violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map((v) => `${v.id}: ${v.nodes.map((n) => `${n.html} ${n.failureSummary}`).join(' | ')}`);
  }, rules);
}
