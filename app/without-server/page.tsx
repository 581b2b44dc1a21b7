import { titled } from '@/app/titled';
import { Shell } from '@/ui/offline/shell';

export const dynamic = 'force-dynamic';
export const generateMetadata = titled('Without the server');

/**
 * What the service worker shows where a page finds no server: the same for everybody, and nothing of it is
 * data.
 */
export default function WithoutServerPage() {
  return <Shell />;
}
