import base from './jest.config.mjs';

/** Tests of what must not wait: no other browser may work beside them. */
export default { ...base, testMatch: ['**/*.alone.ts'] };
