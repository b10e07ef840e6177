import { z } from 'zod';

const KINDS: Record<string, string> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'yes or no',
  array: 'a list',
  object: 'an object',
  record: 'an object',
};

/**
 * What is wrong with something that was sent or read, for a person: it follows the name of the part it is about (“pages” must be
 * a list). Where a schema has words of its own, these are said.
 */
z.config({
  customError(issue) {
    switch (issue.code) {
      case 'invalid_type':
        return issue.input === undefined ? 'is missing' : `must be ${KINDS[issue.expected] ?? 'something else'}`;
      case 'too_small':
        return issue.origin === 'string' || issue.origin === 'array' ? 'is too short' : `must be at least ${String(issue.minimum)}`;
      case 'too_big':
        return issue.origin === 'string' || issue.origin === 'array' ? 'is too long' : `must be at most ${String(issue.maximum)}`;
      case 'invalid_value':
        return issue.values.length <= 12 ? `must be one of ${issue.values.map(String).join(', ')}` : 'is none of what it may be';
      case 'unrecognized_keys':
        return `has parts that are not known: ${issue.keys.slice(0, 5).join(', ')}`;
      case 'not_multiple_of':
        return `must be a multiple of ${String(issue.divisor)}`;
      default:
        return 'is not what it must be';
    }
  },
});

/** What is wrong first, with the name of the part it is about. */
export function firstFault(error: z.ZodError): string {
  const [issue] = error.issues;
  if (!issue) return 'it is not what it must be';
  return issue.path.length ? `“${issue.path.map(String).join('.')}” ${issue.message}` : issue.message;
}
