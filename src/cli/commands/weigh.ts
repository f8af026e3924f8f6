import { askOfFile, readAsk } from '@/core/design/read';
import { candidatesOf } from '@/core/weigh/candidates';
import { weighOne } from '@/core/weigh/weigh';
import { readArgs, readJson, UsageError, type Command } from '../command';

export const weigh: Command = {
  name: 'weigh',
  usage: 'ASK.json [--most N]',
  summary: 'candidate designs for an ask, each designed and solved',
  run(args) {
    const { positionals, values } = readArgs(args, { most: { type: 'string' } }, 1);
    const most = values.most === undefined ? undefined : Number(values.most);
    if (most !== undefined && !(Number.isInteger(most) && most > 0))
      throw new UsageError('--most must be a whole number above zero');
    const { opAmp, ...ask } = askOfFile(readAsk(readJson(positionals[0])));
    const all = candidatesOf(ask, { most }).map((c) => weighOne(c, { opAmp }));
    return {
      rows: all.flatMap((r) => {
        if ('refusal' in r) return [];
        return [{ ...r, trace: undefined }];
      }),
      refusals: all.filter((r) => 'refusal' in r),
    };
  },
};
