import type { Metadata, Viewport } from 'next';
import type { ReactNode } from 'react';
import { SendWaiting } from '@/ui/bench/send-waiting';
import { Themes } from '@/ui/kit/themes';
import './globals.css';

export const metadata: Metadata = { title: { default: 'Mudflat', template: '%s · Mudflat' }, description: 'Electrical readings from diesel engines, judged and kept' };
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default function Layout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <body><Themes>{children}</Themes><SendWaiting /></body>
    </html>
  );
}
