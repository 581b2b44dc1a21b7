'use client';
import { ThemeProvider } from 'next-themes';
import type { ReactNode } from 'react';

/** `nonce`: of the answer, for the script that sets the theme before anything is drawn. */
export function Themes({ nonce, children }: { nonce: string | undefined; children: ReactNode }) {
  return (
    <ThemeProvider
      attribute="data-theme"
      defaultTheme="shed"
      themes={['shed', 'night', 'sun']}
      enableSystem={false}
      {...(nonce === undefined ? {} : { nonce })}
    >
      {children}
    </ThemeProvider>
  );
}
