/** Sent with everything: pages, files and refusals. The content policy of pages is made in src/proxy.ts. */
export const SECURITY_HEADERS = {
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy': 'camera=(), geolocation=(), payment=(), usb=()',
};

/** The policy of an answer that is no page: it may load nothing and be shown nowhere. */
export const NO_PAGE_POLICY = "default-src 'none'; base-uri 'none'; frame-ancestors 'none'";

/** The policy of the worker that keeps the program in the browser: it fetches what it keeps, no more. */
export const WORKER_POLICY = "default-src 'none'; connect-src 'self'; base-uri 'none'";
