'use client';
import { RadioGroup } from 'radix-ui';

/** Several of a few words, each a switch. */
export function Chips<T extends string>({
  label,
  all,
  chosen,
  onChange,
}: {
  label: string;
  all: readonly T[];
  chosen: readonly T[];
  onChange: (chosen: readonly T[]) => void;
}) {
  return (
    <div role="group" aria-label={label} className="my-1 flex flex-wrap gap-2">
      {all.map((c) => (
        <button
          key={c}
          type="button"
          aria-pressed={chosen.includes(c)}
          onClick={() => onChange(chosen.includes(c) ? chosen.filter((x) => x !== c) : [...chosen, c])}
          className="min-h-11 rounded-full border-2 border-line bg-card px-4 aria-pressed:border-estuary aria-pressed:bg-estuary aria-pressed:font-semibold aria-pressed:text-on-estuary"
        >
          {c}
        </button>
      ))}
    </div>
  );
}

/**
 * One of a few words, as large as a glove wants it; by the keyboard one stop of the Tab key, chosen by the
 * arrows.
 */
export function Choice<T extends string>({
  label,
  options,
  value,
  onChange,
}: {
  label: string;
  options: readonly (readonly [T, string])[];
  value: T | null;
  onChange: (value: T) => void;
}) {
  return (
    <fieldset className="mb-3">
      <legend className="font-semibold">{label}</legend>
      <RadioGroup.Root
        aria-label={label}
        value={value}
        onValueChange={(chosen) => {
          const option = options.find(([id]) => id === chosen);
          if (option) onChange(option[0]);
        }}
        className="mt-1 flex flex-wrap gap-2"
      >
        {options.map(([id, text]) => (
          <RadioGroup.Item
            key={id}
            value={id}
            className="min-h-12 rounded-lg border-2 border-line bg-card px-4 aria-checked:border-estuary aria-checked:bg-estuary aria-checked:font-semibold aria-checked:text-on-estuary"
          >
            {text}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </fieldset>
  );
}
