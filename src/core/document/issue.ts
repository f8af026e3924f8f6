import type { z } from 'zod';
import { quoted } from '@/core/text';

/** What a schema complains of, in words that follow a name: "must be …", "is missing". */
export interface Complaint {
  /** "ways[0].load.ohms"; empty for the document as a whole. */
  path: string;
  message: string;
}

type Issue = z.core.$ZodIssue;

/** The first complaint of a schema, short and about one place. */
export function firstIssue(error: z.ZodError, document: unknown): Complaint {
  let issue: Issue = error.issues[0];
  let path = issue.path;
  while (issue.code === 'invalid_union' && issue.errors.length > 0 && issue.errors[0].length > 0) {
    // Of a union's branches, report the one that got furthest before failing.
    const branch = [...issue.errors].sort(
      (a, b) => (b[0]?.path.length ?? 0) - (a[0]?.path.length ?? 0),
    )[0];
    if (branch[0].path.length === 0) break;
    issue = branch[0];
    path = [...path, ...issue.path];
  }
  return { path: pathText(path), message: words(issue, valueAt(document, path)) };
}

/** A path as it is written in messages: "ways[0].load". */
export function pathText(path: readonly PropertyKey[]): string {
  return path
    .map((step) => (typeof step === 'number' ? `[${step}]` : `.${String(step)}`))
    .join('')
    .replace(/^\./, '');
}

/** What would have been known, where it is few enough to say. */
const oneOf = (values: readonly unknown[] = []): string =>
  values.length > 0 && values.length <= 6 ? `: one of ${values.map(String).join(', ')}` : '';

function words(issue: Issue, given: unknown): string {
  const missing = given === undefined;
  switch (issue.code) {
    case 'unrecognized_keys': {
      const [first, ...more] = issue.keys;
      const rest = more.length === 0 ? '' : ` and ${more.length} more`;
      return `has a field not known here, ${quoted(first)}${rest}`;
    }
    case 'invalid_union':
      if (missing) return 'is missing';
      return 'discriminator' in issue && issue.discriminator
        ? `is ${show(given)}, which is not known here${oneOf('options' in issue ? issue.options : [])}`
        : 'is of no form known here';
    case 'invalid_type':
      // Messages of our own say what is expected; Zod's own begin with "Invalid".
      return missing
        ? 'is missing'
        : issue.message.startsWith('Invalid')
          ? `must be ${KINDS[issue.expected] ?? issue.expected}, not ${show(given)}`
          : issue.message;
    case 'invalid_value': {
      if (!issue.message.startsWith('Invalid')) return issue.message;
      if (missing) return 'is missing';
      return `is ${show(given)}, which is not known here${oneOf(issue.values)}`;
    }
    case 'too_big':
    case 'too_small': {
      if (!issue.message.startsWith('Too ')) return issue.message;
      const bound = issue.code === 'too_big' ? issue.maximum : issue.minimum;
      const most = issue.code === 'too_big' ? 'at most' : 'at least';
      if (issue.origin === 'string') return `must be ${most} ${bound} characters long`;
      if (issue.origin === 'array') return `must list ${most} ${bound}`;
      return `must be ${most} ${bound}`;
    }
    default:
      return issue.message;
  }
}

const KINDS: Record<string, string> = {
  string: 'text',
  number: 'a finite number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  record: 'an object',
};

/** A value as a message names it; lists and objects only by what they are. */
function show(value: unknown): string {
  if (typeof value === 'string') return quoted(value);
  if (Array.isArray(value)) return 'a list';
  if (typeof value === 'object' && value !== null) return 'an object';
  return String(value);
}

function valueAt(document: unknown, path: readonly PropertyKey[]): unknown {
  return path.reduce<unknown>(
    (node, step) => (node as Record<PropertyKey, unknown> | null | undefined)?.[step],
    document,
  );
}
