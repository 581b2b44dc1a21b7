import { beginTest } from '../../core/catalogue/beginning';
import { QUANTITIES } from '../../core/quantity/units';
import { readCatalogue, writeCatalogue } from '../../formats/catalogue';
import { draftOfTest, testOfDraft } from './draft';

const asked = {
  name: 'Gate switch',
  area: 'Harness',
  part: 'gate switch',
  layout: 'places',
  positions: ['open', 'closed'],
  probe: 'Across the two pins of the switch.',
  proves: 'Tells a worn switch from its wire.',
} as const;

test.each(QUANTITIES)('of %s: what is begun so is a whole test, as a file and in the long form', (quantity) => {
  const made = beginTest({ ...asked, quantity }, new Set());
  expect(readCatalogue(JSON.stringify(writeCatalogue([made])))).toEqual({ ok: true, value: [made] });
  // The unit of pass or fail has no text of its own in the form; everything else comes back as it was.
  const through = testOfDraft(draftOfTest(made));
  expect(through.ok ? through.value.id : through.error).toBe('gate-switch');
});
