import { expect, test } from '@playwright/test';
import { BenchPage, newRun, switchTo } from './bench-page';

test('a lead copies a circuit and changes it; the drawing follows; what is wrong is said at the field; the next job of that engine is weighed by it', async ({
  page,
  request,
}) => {
  const id = `glow-own-${Date.now()}`;
  await page.goto('/circuits');
  await switchTo(page, 'Odile Brandt');
  await page.getByRole('button', { name: 'Glow plugs behind one relay' }).click();
  await page.getByRole('button', { name: 'Copy and change' }).click();
  const form = page.getByRole('form', { name: 'Copy of a circuit' });
  await form.getByLabel('Short name').fill(id);
  await form.getByLabel('Name', { exact: true }).fill('Glow plugs of the small pump');
  await form.getByLabel('Engine families').fill('L3-11');
  const plug = form.getByLabel('plug, cold, Ω');
  await plug.fill('a lot');
  await expect(form.getByText('"a lot" is no number.')).toBeVisible();
  await expect(form.getByRole('button', { name: 'Keep' })).toBeDisabled();
  await plug.fill('0,9');
  // One more element in the data is one more in the drawing.
  await form.getByText('Elements, faults, test points and drawing').click();
  const json = form.getByLabel('By the schema of docs/formats');
  const before = await form.getByTestId('drawn').locator('polyline').count();
  await json.fill(
    (await json.inputValue()).replace(
      '"elements": [',
      '"elements": [{"id":"heater","kind":"resistor","from":"bus","to":"engine","value":"plug","label":"heater","symbol":"coil"},',
    ),
  );
  await expect(form.getByTestId('drawn').getByText('heater')).toBeVisible();
  expect(await form.getByTestId('drawn').locator('polyline').count()).toBeGreaterThan(before);
  const good = await json.inputValue();
  await json.fill(good.replace('"to":"engine"', '"to":"nowhere"'));
  await expect(form.getByText('"nowhere" has no place on the drawing.')).toBeVisible();
  await json.fill(good);
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('article', { name: 'Glow plugs of the small pump' })).toBeVisible();
  await expect(page.getByText('for L3-11')).toBeVisible();

  const run = await newRun(request, 'PL-22');
  const known = (await (await request.get(`/api/runs/${run}/case`)).json()) as {
    circuits: { id: string; values: { plug: { value: number } } }[];
  };
  expect(known.circuits[0]).toMatchObject({ id, values: { plug: { value: 0.9 } } });
  await page.getByRole('button', { name: 'Take away' }).click();
  await expect(page.getByRole('button', { name: 'Glow plugs of the small pump' })).toHaveCount(0);
});

test('on the bench the circuit says who is suspected and which test tells most next, while readings go in', async ({
  page,
  request,
}) => {
  const bench = new BenchPage(page, await newRun(request, 'PL-14', '', 'glow-plug-current'));
  await bench.open();
  await bench.type('15', '15', '0.2');
  const says = page.getByRole('region', { name: 'What the circuit says' });
  await expect(says).toContainText(/plug 3|wire 3/);
  // Of a set nothing is decided before it is read whole.
  await expect(says).toContainText('cylinder 4 is not read yet');
  await bench.type('15');
  // Read whole and saved: what comes next says the job.
  const next = page.getByRole('region', { name: 'Next' });
  await expect(next).toContainText('Measure:');
  await next.getByRole('button', { name: 'Start it' }).click();
  await expect(page).not.toHaveURL(new RegExp(bench.runId));
  await expect(page).toHaveURL(/\/runs\//);
});
