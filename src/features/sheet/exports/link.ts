import { ReedError } from '@/core/errors';
import { fileOf } from '@/core/sheet/file';
import { linkOf } from '@/core/sheet/link';
import { libraryFor } from '@/store/library';
import { tell } from '../../shell/tell';
import type { Export } from './export';

/** An address that holds the whole sheet: whoever opens it has a copy on the shelf. */
export const linkExport: Export = {
  id: 'link',
  title: 'Copy a link that holds it',
  async run(sheet) {
    const { library } = await libraryFor([sheet]);
    const address = `${location.origin}/${linkOf(fileOf(sheet, library))}`;
    // Pages over plain http from another machine have no clipboard.
    const clipboard = navigator.clipboard as Clipboard | undefined;
    if (!clipboard)
      throw new ReedError('range', 'this page is not allowed to copy: export a file instead');
    await clipboard.writeText(address);
    tell('The link is copied. Whoever opens it gets a copy of this sheet.');
  },
};
