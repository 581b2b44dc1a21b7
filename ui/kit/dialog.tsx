'use client';
import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import { type ReactNode, useRef } from 'react';

export interface DialogProps {
  readonly onClose: () => void;
  readonly title: string;
  readonly description?: string;
  readonly children: ReactNode;
  readonly wide?: boolean;
  /** Where the focus goes when the dialog has closed; default: back to what opened it. */
  readonly onCloseAutoFocus?: (event: Event) => void;
}

/** Is open as long as it is there. */
export function Dialog({
  onClose,
  title,
  description,
  children,
  wide = false,
  onCloseAutoFocus = () => undefined,
}: DialogProps) {
  const content = useRef<HTMLDivElement>(null);
  return (
    <Radix.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Radix.Content
          ref={content}
          onOpenAutoFocus={(event) => {
            event.preventDefault();
            focusFirst(content.current);
          }}
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

/** A form over the page. What is wrong is said at its fields, not by the browser. */
export function FormDialog({
  onSubmit,
  children,
  ...dialog
}: DialogProps & { readonly onSubmit: (form: HTMLFormElement) => void }) {
  return (
    <Dialog {...dialog}>
      <form
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          onSubmit(e.currentTarget);
        }}
      >
        {children}
      </form>
    </Dialog>
  );
}

const FIELD = ['input:not([type=hidden]):not([type=file])', 'textarea', 'select']
  .map((f) => `${f}:not([disabled]):not([aria-hidden])`)
  .join();

/**
 * Typing begins in the first field: on the button that closes, the first space would throw away what was
 * begun. Where a finger points, a field would call up the keys that cover the half of the glass: there, and
 * where there is no field, the dialog itself has the focus.
 */
function focusFirst(content: HTMLElement | null): void {
  if (!content || content.contains(document.activeElement)) return;
  const field = window.matchMedia('(pointer: coarse)').matches ? null : content.querySelector<HTMLElement>(FIELD);
  (field ?? content).focus({ preventScroll: true });
}
