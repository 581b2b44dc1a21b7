import NextLink from 'next/link';
import type { ComponentProps, ReactNode } from 'react';

/**
 * A link to a page of the application. Nothing is fetched before it is followed: every page is drawn for
 * whoever asks, so what was fetched ahead showed nothing sooner, and thirty links of a yard cost the server
 * more than the yard.
 */
export function Link(link: ComponentProps<typeof NextLink>): ReactNode {
  return <NextLink {...link} prefetch={false} />;
}
