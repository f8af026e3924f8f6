import { useEvaluations } from './evaluations';
import { attempt, tell } from '../shell/tell';
import { setUi } from './ui-state';

/**
 * Do what puts another device in, and leave the curve of before on the picture beside the new one, until
 * it is taken away.
 *
 * @param before what stood there
 */
export function swapped(before: string, doIt: () => void, words: string): void {
  const built = useEvaluations.getState().evaluation?.layers.find((l) => l.id === 'built');
  if (!attempt(doIt)) return;
  if (built) setUi({ laidOver: [{ name: `with ${before}`, look: 'trial', trace: built.trace }] });
  tell(words);
}
