import type { ButtonHTMLAttributes } from 'react';

const TONES = {
  plain: 'border-line bg-card text-ink hover:border-estuary',
  strong: 'border-estuary bg-estuary text-on-estuary',
} as const;

export function buttonLook(tone: keyof typeof TONES = 'plain'): string {
  return `inline-flex min-h-12 items-center justify-center gap-2 rounded-lg border-2 px-4 font-semibold disabled:opacity-50 ${TONES[tone]}`;
}

export function Button({
  tone = 'plain',
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { tone?: keyof typeof TONES }) {
  return <button type="button" {...rest} className={`${buttonLook(tone)} ${className}`} />;
}
