import { deflateSync, strFromU8 } from 'fflate';
import fc from 'fast-check';
import { ReedError } from '@/core/errors';
import { DRIVER } from '@/core/library/testing';
import { demoMade } from '@/testing/demo';
import { AT } from '@/testing/open-sheet';
import { fileOf } from './file';
import { LINK_SIGN, linkOf, LONGEST_LINK, sheetOfLink } from './link';
import { readSheet } from './read';

test.each(demoMade(AT).map((s) => [s.title, s] as const))('%s fits into a link', (_, sheet) => {
  const link = linkOf(fileOf(sheet));
  expect(link).toMatch(/^#sheet=[\w-]+$/);
  expect(sheetOfLink(link)!.sheet).toEqual(readSheet(sheet));
});

test('what it refers to goes along', () => {
  const [sheet] = demoMade(AT);
  const [way] = sheet.ways;
  const ending = {
    ...sheet,
    ways: [
      { ...way, to: { is: 'driver' as const, name: 'x', driver: DRIVER.id, inverted: false } },
    ],
  };
  const library = { takes: [], drivers: [DRIVER], drawer: [] };
  expect(sheetOfLink(linkOf(fileOf(ending, library)))!.along.drivers).toEqual([DRIVER]);
});

test('a sheet that is too large for one is refused in words; other addresses hold none', () => {
  const sheet = demoMade(AT).find((s) => s.id === 'demo-hall-speaker')!;
  const note = (i: number) =>
    Array.from({ length: 400 }, (_, k) => ((i * 7919 + k * 104729) % 9973).toString(36)).join('');
  const boards = Array.from({ length: 20 }, (_, i) => ({
    id: `b${i}`,
    name: 'x',
    values: {},
    takes: [],
    note: note(i),
  }));
  expect(() => linkOf({ ...sheet, boards })).toThrow(/too large for a link/);
  expect(sheetOfLink('')).toBeNull();
  expect(sheetOfLink('#level')).toBeNull();
});

test('cut off, changed, or made to unpack to far too much, it is refused in words', () => {
  const link = linkOf(demoMade(AT)[0]);
  const refused = (text: string) => {
    try {
      sheetOfLink(text);
      return '';
    } catch (error) {
      expect(error).toBeInstanceOf(ReedError);
      return (error as ReedError).message;
    }
  };
  fc.assert(
    fc.property(fc.integer({ min: LINK_SIGN.length, max: link.length - 2 }), (at) => {
      expect(refused(link.slice(0, at))).not.toBe('');
    }),
    { numRuns: 100, seed: 1 },
  );
  const bomb = btoa(strFromU8(deflateSync(new Uint8Array(60_000_000)), true));
  const address = bomb.replaceAll('+', '-').replaceAll('/', '_').replace(/=+$/, '');
  expect(refused(LINK_SIGN + address.slice(0, LONGEST_LINK))).toMatch(
    /does not hold a whole sheet/,
  );
  expect(refused(`${LINK_SIGN}???`)).toMatch(/does not hold a whole sheet/);
});
