const { createTransformer } = require('@swc/jest');

const swc = createTransformer({
  jsc: {
    parser: { syntax: 'typescript', tsx: true },
    target: 'es2022',
    transform: { react: { runtime: 'automatic' } },
  },
});

// A test's globals are looked up through its sandbox at every use, which takes longer than most
// calculations; the same names as constants of a module are not.
const NAMES = 'Math, Number, Array, Object, Float64Array, Int32Array, Map, Set, NaN, Infinity';
const constants = `const { ${NAMES} } = globalThis;`;
const DIRECTIVE = /^\s*["']use strict["'];?/;

const withConstants = (output) => ({
  ...output,
  // On the first line, so that lines keep their numbers; a directive stays in front of all else.
  code: DIRECTIVE.test(output.code)
    ? output.code.replace(DIRECTIVE, (found) => `${found}${constants}`)
    : `${constants}${output.code}`,
});

module.exports = {
  ...swc,
  process: (...args) => withConstants(swc.process(...args)),
  getCacheKey: (...args) => `${swc.getCacheKey(...args)}${constants}`,
};
