'use client';
import { Dialog } from './dialog';
import { SignInForm } from './sign-in-form';

/** Signing in where one stands: the screen beneath keeps what was typed. */
export function SignInDialog({
  because,
  name,
  onClose,
  onDone,
}: {
  because: string;
  name: string;
  onClose: () => void;
  onDone: (name: string) => void;
}) {
  return (
    <Dialog
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
      title={because ? 'Signed out' : 'Another person signs in'}
    >
      <p className="mb-3">
        {because || 'Both stay signed in on this device; the name at the top switches between them.'}
      </p>
      <SignInForm name={name} onDone={onDone} />
    </Dialog>
  );
}
