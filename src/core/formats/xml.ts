const ENTITIES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** Control characters and halves of characters may not stand in XML at all. */
const FORBIDDEN = /[\p{Cc}\p{Cs}\ufffe\uffff]/gu;
/** A text as it stands between the marks of an XML document. */
export const escaped = (text: string): string =>
  text.replace(FORBIDDEN, ' ').replace(/[&<>"]/g, (c) => ENTITIES[c]);
