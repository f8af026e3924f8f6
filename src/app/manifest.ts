import type { MetadataRoute } from 'next';

/** What a browser needs to know to install the program as one of its own. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    id: '/',
    name: 'Jaunty Reed',
    short_name: 'Jaunty Reed',
    description: 'A bench companion for people who design and build analogue audio circuits',
    start_url: '/',
    display: 'standalone',
    background_color: '#f6f2e9',
    theme_color: '#b4561f',
    icons: [
      { src: '/icons/any.svg', sizes: 'any', type: 'image/svg+xml' },
      { src: '/icons/192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icons/512.png', sizes: '512x512', type: 'image/png' },
      { src: '/icons/512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
  };
}
