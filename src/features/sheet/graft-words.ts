/* What changes a circuit, fetched together when a part is first chosen. */
export { Controls } from './controls';
export { GraftBar } from './graft-bar';
export { HeardChoice, ModelChoice } from './model-choice';
export { GraftSentence } from './graft-sentence';
export { PointSentence } from './point-sentence';
