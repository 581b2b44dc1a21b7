'use client';
import { Dialog } from './dialog';
import { SignInForm } from './sign-in-form';

/** Signing in where one stands: the screen beneath keeps what was typed. */
export function SignInDialog({
  title,
  because,
  name,
  to = 'sign-in',
  onClose,
  onDone,
}: {
  title: string;
  because: string;
  name: string;
  to?: 'sign-in' | 'switch';
  onClose: () => void;
  onDone: (name: string) => void;
}) {
  return (
    <Dialog onClose={onClose} title={title}>
      <p className="mb-3">{because}</p>
      <SignInForm name={name} to={to} onDone={onDone} />
    </Dialog>
  );
}
