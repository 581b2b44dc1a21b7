'use client';
import { ThemeProvider } from 'next-themes';
import type { ReactNode } from 'react';

export function Themes({ children }: { children: ReactNode }) {
  return (
    <ThemeProvider attribute="data-theme" defaultTheme="shed" themes={['shed', 'night', 'sun']} enableSystem={false}>
      {children}
    </ThemeProvider>
  );
}
