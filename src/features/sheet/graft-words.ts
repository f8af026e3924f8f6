/* What changes a circuit, fetched together when a part is first chosen. */
export { Controls } from './controls';
export { GraftArea } from './graft-area';
export { HeardChoice, ModelChoice, OpAmpChoice } from './model-choice';
export { moveComposed } from './move-part';
