/* What changes a circuit, fetched together when a part is first chosen. */
export { GraftArea } from './graft-area';
export { HeardChoice, ModelChoice } from './model-choice';
export { moveComposed } from './move-part';
