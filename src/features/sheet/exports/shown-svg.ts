import { ReedError } from '@/core/errors';
import { pictureSvg } from '@/ui/picture-export';

/**
 * A picture on screen as the text of a file.
 *
 * @throws ReedError in the given words where there is none
 */
export function shownSvg(selector: string, otherwise: string): string {
  const svg = document.querySelector<SVGSVGElement>(selector);
  if (!svg) throw new ReedError('document', otherwise);
  return pictureSvg(svg);
}
