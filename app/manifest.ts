import type { MetadataRoute } from 'next';

/** The application can be put on a tablet’s home screen: it then opens without the browser’s own bars. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Mudflat',
    short_name: 'Mudflat',
    description: 'Electrical readings from diesel engines, judged and kept',
    start_url: '/',
    display: 'standalone',
    background_color: '#f4f0e9',
    theme_color: '#0e5863',
    icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
  };
}
