import { CircleCheck, Circle } from 'lucide-react';
import { Link } from '../kit/link';
import type { FirstStepsView } from '../../application/views';

const STEPS: readonly (readonly [keyof FirstStepsView, string, string, string])[] = [
  ['families', 'An engine family', 'how many cylinders, and how the maker counts them', '/workshop'],
  ['units', 'A unit', 'what comes into the workshop; also from a list', '/workshop'],
  ['instruments', 'A meter', 'with its accuracy: it says how sure a reading is', '/instruments'],
  ['limits', 'Limits', 'of the maker, with their source; until then general rules judge, and say so', '/shelf'],
  ['people', 'Another person', 'each signs in with a name and PIN of their own', '/people'],
];

/** What an empty installation asks for, in order. Each line ticks itself from what is there. */
export function FirstSteps({ steps }: { steps: FirstStepsView }) {
  const next = STEPS.find(([id]) => !steps[id])?.[0];
  return (
    <section aria-label="First steps" className="mb-6 rounded-xl bg-card p-4">
      <h2 className="mb-2 font-semibold">First steps</h2>
      <ol className="flex flex-col">
        {STEPS.map(([id, name, what, path]) => {
          const Icon = steps[id] ? CircleCheck : Circle;
          return (
            <li key={id}>
              <Link
                href={path}
                className={`flex min-h-12 items-center gap-3 rounded-lg px-2 ${id === next ? 'border-2 border-estuary font-semibold' : ''}`}
              >
                <Icon size={20} aria-hidden="true" className={steps[id] ? 'text-eelgrass' : 'text-soft'} />
                <span>
                  {name}
                  <span className="sr-only">{steps[id] ? ', done' : ', to do'}</span>{' '}
                  <span className="font-normal text-soft">{what}</span>
                </span>
              </Link>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
