/** Properties that give a drawn element its look; written into the file so that it needs no style sheet. */
const LOOK = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linejoin',
  'vector-effect',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
];

/**
 * An SVG file of a picture on screen, as it looks now: computed styles become attributes, and the
 * paper is drawn behind it.
 */
export function pictureSvg(source: SVGSVGElement): string {
  const copy = source.cloneNode(true) as SVGSVGElement;
  const originals = [source, ...source.querySelectorAll('*')];
  const copies = [copy, ...copy.querySelectorAll('*')];
  originals.forEach((element, i) => {
    const style = getComputedStyle(element);
    const target = copies[i];
    for (const name of [
      'class',
      'style',
      'role',
      'tabindex',
      'aria-label',
      'data-schematic',
      'data-layer',
    ])
      target.removeAttribute(name);
    if (!(element instanceof SVGGraphicsElement) || element instanceof SVGGElement) return;
    for (const property of LOOK) {
      const value = style.getPropertyValue(property);
      // References to patterns and clip paths inside the file stay as they were written.
      if (value === '' || value.includes('url(')) continue;
      target.setAttribute(property, value);
    }
  });
  const box = source.viewBox.baseVal;
  const { width, height } = source.getBoundingClientRect();
  const framed = box.width > 0 ? box : { x: 0, y: 0, width, height };
  const paper = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  for (const [name, value] of Object.entries({
    x: framed.x,
    y: framed.y,
    width: framed.width,
    height: framed.height,
  }))
    paper.setAttribute(name, String(value));
  paper.setAttribute(
    'fill',
    getComputedStyle(document.documentElement).getPropertyValue('--panel').trim(),
  );
  copy.insertBefore(paper, copy.firstChild);
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(Math.round(width)));
  copy.setAttribute('height', String(Math.round(height)));
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(copy)}\n`;
}

/** Paint an SVG file at twice its size. */
export async function svgToPng(svg: string): Promise<Blob> {
  const url = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = image.naturalWidth * 2;
    canvas.height = image.naturalHeight * 2;
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    if (!blob) throw new Error('This browser could not paint the picture.');
    return blob;
  } finally {
    URL.revokeObjectURL(url);
  }
}
