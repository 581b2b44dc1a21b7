import { expect, type Locator, type Page } from '@playwright/test';

/** A technician at the screen: counts what their hands do. */
export class Hands {
  taps = 0;
  keys = 0;

  constructor(readonly page: Page) {}

  async tap(what: Locator): Promise<void> {
    await what.click();
    this.taps += 1;
  }
  /** Types into what has the focus. */
  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text);
    this.keys += text.length;
  }
  async press(key: string): Promise<void> {
    await this.page.keyboard.press(key);
    this.keys += 1;
  }
  /** Goes to a field and writes into it, over what stands there. */
  async write(field: Locator, text: string): Promise<void> {
    await this.tap(field);
    await field.fill(text);
    this.keys += text.length;
  }
  region(name: string | RegExp): Locator {
    return this.page.getByRole('region', { name, exact: typeof name === 'string' });
  }
  button(name: string | RegExp): Locator {
    return this.page.getByRole('button', { name });
  }
  get now(): Locator {
    return this.region('Now');
  }
  /** What is next, as its sentence. */
  get sentence(): Locator {
    return this.now.getByRole('heading', { name: /^Now:/ });
  }
  async says(sentence: string | RegExp): Promise<void> {
    await expect(this.sentence).toContainText(sentence);
  }

  /** From the yard to the page of a new job. */
  async openJob(unit: string, complaint: string, ...conditions: readonly string[]): Promise<void> {
    await this.page.goto('/');
    await this.tap(this.button(`Open a job for ${unit}`));
    await expect(this.page.getByLabel('Complaint')).toBeFocused();
    await this.type(complaint);
    for (const c of conditions) await this.tap(this.button(c));
    await this.tap(this.button('Open job'));
    await this.page.waitForURL(/\/jobs\//);
  }
  async codes(text: string): Promise<void> {
    await this.tap(this.now.getByLabel('Typed or pasted'));
    await this.type(text);
    await this.press('Enter');
    await expect(this.sentence).not.toContainText('Read the fault codes');
  }
  async noCodes(): Promise<void> {
    await this.tap(this.now.getByRole('button', { name: 'No codes there' }));
    await expect(this.sentence).not.toContainText('Read the fault codes');
  }
  /** Begins the test that is next, or another one by its name. */
  async start(name: string): Promise<void> {
    const next = this.now.getByRole('button', { name: `Start ${name}`, exact: true });
    const planned = this.region('Plan').getByRole('button', { name: `Start ${name}`, exact: true });
    await expect(this.sentence).toBeVisible();
    const folded = this.page.locator('summary', { hasText: 'Could still be measured' });
    if (!(await next.isVisible()) && (await folded.isVisible())) await this.tap(folded);
    if (await next.isVisible()) await this.tap(next);
    else if (await planned.isVisible()) await this.tap(planned);
    else {
      await this.tap(this.button('Another test').first());
      await this.type(name);
      await this.tap(this.page.getByRole('dialog').getByRole('button', { name: `Start ${name}`, exact: true }));
    }
    await this.page.waitForURL(/\/runs\//);
    await expect(this.page.locator('#entry')).toBeFocused();
  }
  /** On the bench, by the keyboard alone. */
  async enter(...entries: readonly string[]): Promise<void> {
    for (const e of entries) {
      await this.type(e);
      await this.press('Enter');
    }
    await expect(this.page.getByTestId('saved')).toHaveText('Everything is saved.');
  }
  /** The leads held together are the first thing that the bench asks for. */
  async zeroLeads(shown: string): Promise<void> {
    await expect(this.region('Next')).toContainText('Touch the leads together');
    await this.enter(shown);
  }
  /** The same test anew, after the repair. */
  async measureAgain(...entries: readonly string[]): Promise<void> {
    await this.tap(this.now.getByRole('button', { name: /^Measure again/ }).first());
    await this.page.waitForURL(/\/runs\//);
    await expect(this.page.locator('#entry')).toBeFocused();
    await this.enter(...entries);
    await this.toTheJob();
  }
  async toTheJob(): Promise<void> {
    const link = this.page.getByRole('link', { name: /^(To the job|PL-|Job |New job)/ }).first();
    await this.tap(link);
    await this.page.waitForURL(/\/jobs\//);
  }
  /** What the eye found. */
  async seen(where: string, position: string | null, what: string): Promise<void> {
    await this.tap(this.page.getByRole('button', { name: 'Seen', exact: true }));
    const dialog = this.page.getByRole('dialog');
    await this.write(dialog.getByLabel('Where'), where);
    if (position !== null) await this.write(dialog.getByLabel('Position'), position);
    await this.tap(dialog.getByRole('radio', { name: 'damaged', exact: true }));
    await this.write(dialog.getByLabel('What is seen'), what);
    await this.tap(dialog.getByRole('button', { name: 'Keep' }));
    await expect(dialog).toHaveCount(0);
  }
  /** Signs a finding in words of one's own. */
  async signOwn(kind: string, what: string, where: string): Promise<void> {
    const own = this.region('Instead').getByRole('button', { name: 'Write a finding' });
    await this.tap((await own.isVisible()) ? own : this.now.getByRole('button', { name: 'Write a finding' }));
    const dialog = this.page.getByRole('dialog');
    await this.tap(dialog.getByRole('radio', { name: kind, exact: true }));
    await this.write(dialog.getByLabel(/^(What|The wire to)$/), what);
    if (where) await this.write(dialog.getByLabel('Where'), where);
    await this.tap(dialog.getByRole('button', { name: /^Sign as/ }));
    await expect(dialog).toHaveCount(0);
  }
  /** Signs what the evidence proposes. */
  async sign(): Promise<void> {
    await this.tap(this.now.getByRole('button', { name: /finding$/ }));
    await this.tap(this.page.getByRole('dialog').getByRole('button', { name: /^Sign as/ }));
    await expect(this.page.getByRole('dialog')).toHaveCount(0);
  }
  /** Prices are asked where nobody has entered them. */
  async quote(...fields: readonly (readonly [line: number, what: string, value: string])[]): Promise<void> {
    const form = this.page.getByRole('form', { name: 'Quotation' });
    await expect(form).toBeVisible();
    for (const [line, what, value] of fields) {
      const field = form.getByLabel(`Line ${line}, ${what}`);
      if ((await field.inputValue()) === '') await this.write(field, value);
    }
    await this.tap(form.getByRole('button', { name: 'Make the quotation' }));
    await expect(form).toHaveCount(0);
  }
  async accepted(): Promise<void> {
    await this.tap(this.now.getByRole('button', { name: 'Accepted', exact: true }));
    await this.says(/Repair it/);
  }
  /** Ticks all steps: those without a value at once, the others with theirs, one for all positions. */
  async steps(values: Readonly<Record<string, string | null>>): Promise<void> {
    const all = this.now.getByRole('button', { name: /^Tick all that need no value/ });
    if (await all.isVisible()) await this.tap(all);
    for (const [step, value] of Object.entries(values)) {
      const form = this.now.getByRole('form', { name: `Value: ${step}`, exact: true });
      if (value === null) await this.tap(form.getByRole('button', { name: /does not apply$/ }));
      else {
        await this.write(form.getByRole('textbox'), value);
        await this.press('Enter');
      }
      await expect(form).toHaveCount(0);
    }
  }
  /** The code of a new part, typed; `because`: why it is right although it is of another length. */
  async trimCode(cylinder: number, code: string, because?: string): Promise<void> {
    await this.says('Code the new parts.');
    const field = this.page.getByLabel(`Cylinder ${cylinder}`, { exact: true });
    await this.write(field, code);
    if (because !== undefined) await this.write(this.page.getByLabel('It is right all the same'), because);
    await this.tap(field);
    await this.press('Enter');
    if (await this.page.getByText(/^Look once more/).isVisible()) await this.press('Enter');
  }
  /** Codes stay away, the drive and the scan. */
  async prove(): Promise<void> {
    for (const name of [/^Cleared, read again/, /^Driven/, /^All controllers scanned/]) {
      const button = this.now.getByRole('button', { name });
      await this.tap(button);
      await expect(button).toHaveCount(0);
    }
  }
  async release(): Promise<void> {
    await this.says('Release it.');
    await this.tap(this.now.getByRole('button', { name: /^Release, signed/ }));
    await expect(this.now).toContainText('Released.');
  }
}
