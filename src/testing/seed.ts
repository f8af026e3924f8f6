import fc from 'fast-check';

// Properties are drawn alike on every machine, so that a red run can be run again as it was.
// REED_SEED=n draws others.
fc.configureGlobal({ seed: Number(process.env.REED_SEED ?? 20261124) });
