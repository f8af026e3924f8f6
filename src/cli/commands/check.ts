import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { ReedError, messageOf } from '@/core/errors';
import { checkReference } from '@/core/analysis/reference';
import { readArgs, readJson, type Command } from '../command';

interface Row {
  file: string;
  met: boolean;
  analysis?: string;
  worstError?: number;
  tolerance?: number;
  error?: string;
}

export const check: Command = {
  name: 'check',
  usage: 'DIR',
  summary: 'run every reference file of a folder and compare with its results',
  run(args) {
    const { positionals } = readArgs(args, {}, 1);
    let names: string[];
    try {
      names = readdirSync(positionals[0]).filter((n) => n.endsWith('.json'));
    } catch (error) {
      throw new ReedError(
        'document',
        `The folder “${positionals[0]}” cannot be read: ${messageOf(error)}.`,
      );
    }
    const files = names.sort().flatMap((name): Row[] => {
      const document = readJson(join(positionals[0], name));
      if (typeof document !== 'object' || document === null || !('analysis' in document)) return [];
      try {
        const { analysis, worst, tolerance } = checkReference(document);
        return [{ file: name, analysis, worstError: worst, tolerance, met: worst <= tolerance }];
      } catch (error) {
        return [{ file: name, error: messageOf(error), met: false }];
      }
    });
    return {
      files,
      met: files.filter((f) => f.met).length,
      missed: files.filter((f) => !f.met).length,
    };
  },
};
