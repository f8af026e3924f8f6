import { deflateSync, Inflate, strFromU8, strToU8 } from 'fflate';
import { DOCUMENT_LIMITS } from '@/core/document/bounded';
import { ReedError } from '@/core/errors';
import { readSheetFiles, type SheetFile } from './file';

/*
 * A sheet with what it refers to, packed into the part of an address that no server is told.
 */

/** What such an address ends in, before the packed sheet. */
export const LINK_SIGN = '#sheet=';

/** Longest packed sheet: what chat and mail programs carry without breaking it. */
export const LONGEST_LINK = 12_000;

/**
 * The end of an address that holds a sheet.
 *
 * @param file as `fileOf` makes it
 * @throws ReedError `range` where it would be too long for a link
 */
export function linkOf(file: unknown): string {
  const packed = deflateSync(strToU8(JSON.stringify(file)), { level: 9 });
  const text = btoa(strFromU8(packed, true));
  const address = text.replaceAll('+', '-').replaceAll('/', '_').replace(/=+$/, '');
  if (address.length > LONGEST_LINK)
    throw new ReedError(
      'range',
      'The sheet is too large for a link, with its keeps and takes: export it as a file.',
    );
  return LINK_SIGN + address;
}

/**
 * The sheet that an address holds; nothing where it holds none.
 *
 * @param fragment the address from its “#” on
 * @throws ReedError `document` where what it holds is no sheet
 */
export function sheetOfLink(fragment: string): SheetFile | null {
  if (!fragment.startsWith(LINK_SIGN)) return null;
  const broken = new ReedError(
    'document',
    'The link does not hold a whole sheet: it was cut off or changed on its way. Ask for it again, or for the file.',
  );
  const address = fragment.slice(LINK_SIGN.length);
  if (address.length > LONGEST_LINK || !/^[\w-]+$/.test(address)) throw broken;
  let text: string;
  try {
    const packed = atob(address.replaceAll('-', '+').replaceAll('_', '/'));
    text = strFromU8(unpacked(strToU8(packed, true)));
  } catch {
    throw broken;
  }
  const [file] = readSheetFiles(text);
  if (file instanceof ReedError) throw file;
  return file;
}

/** What some bytes unpack to, as long as that is no more than any sheet. */
function unpacked(bytes: Uint8Array): Uint8Array {
  const chunks: Uint8Array[] = [];
  let [length, isWhole] = [0, false];
  const inflate = new Inflate((chunk, final) => {
    length += chunk.length;
    if (length > DOCUMENT_LIMITS.length) throw new Error('more than any sheet');
    chunks.push(chunk);
    isWhole ||= final;
  });
  // A little at a time, so that what would unpack to far too much is noticed on the way.
  const STEP = 1024;
  for (let at = 0; at < bytes.length; at += STEP)
    inflate.push(bytes.subarray(at, at + STEP), at + STEP >= bytes.length);
  if (!isWhole) throw new Error('cut off');
  const all = new Uint8Array(length);
  let at = 0;
  for (const chunk of chunks) {
    all.set(chunk, at);
    at += chunk.length;
  }
  return all;
}
