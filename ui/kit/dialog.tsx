'use client';
import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

export interface DialogProps {
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
  readonly title: string;
  readonly description?: string;
  readonly children: ReactNode;
  readonly wide?: boolean;
  /** Where the focus goes when the dialog has closed; default: back to what opened it. */
  readonly onCloseAutoFocus?: (event: Event) => void;
}

export function Dialog({
  open,
  onOpenChange,
  title,
  description,
  children,
  wide = false,
  onCloseAutoFocus = () => undefined,
}: DialogProps) {
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Radix.Content
          onCloseAutoFocus={onCloseAutoFocus}
          aria-describedby={description ? undefined : ''}
          className={`fixed z-50 top-1/2 left-1/2 max-h-[92dvh] ${wide ? 'w-[min(64rem,calc(100%-2rem))]' : 'w-[min(40rem,calc(100%-2rem))]'} -translate-1/2 overflow-y-auto rounded-2xl border border-line bg-card p-6 text-ink shadow-xl`}
        >
          <div className="flex items-start justify-between gap-4">
            <Radix.Title className="text-xl font-bold">{title}</Radix.Title>
            <Radix.Close
              className="inline-flex size-12 shrink-0 items-center justify-center rounded-lg border border-line"
              aria-label="Close"
            >
              <X size={20} aria-hidden="true" />
            </Radix.Close>
          </div>
          {description && <Radix.Description className="mt-1 text-soft">{description}</Radix.Description>}
          <div className="mt-4">{children}</div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
