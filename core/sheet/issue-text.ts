/** What is wrong with data that does not fit a schema, in words for the person who wrote it. */
import type { z } from 'zod'

type Issue = z.core.$ZodIssue

const KINDS: Readonly<Record<string, string>> = {
  string: 'a text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object with named fields',
  record: 'an object with named fields',
  tuple: 'a list',
}

/** @param whole how the data as a whole is called, where the issue lies at no field of it */
export function issueText(issue: Issue, whole: string): string {
  const place = issue.path.map(String).join('.') || whole
  return `${place}: ${reason(issue)}`
}

function reason(issue: Issue): string {
  switch (issue.code) {
    case 'invalid_type':
      return issue.input === undefined && !issue.message.includes('received')
        ? `is missing; it takes ${KINDS[issue.expected] ?? issue.expected}`
        : issue.message.includes('undefined')
          ? `is missing; it takes ${KINDS[issue.expected] ?? issue.expected}`
          : `takes ${KINDS[issue.expected] ?? issue.expected}`
    case 'unrecognized_keys':
      return `has ${issue.keys.map((key) => `"${key}"`).join(', ')}, which is not known here`
    case 'invalid_value':
      return `takes ${issue.values.map((value) => JSON.stringify(value)).join(' or ')}`
    case 'too_small':
      return issue.origin === 'string'
        ? 'must not be empty'
        : issue.origin === 'array'
          ? `needs at least ${issue.minimum} entries`
          : `must be at least ${issue.minimum}`
    case 'too_big':
      return issue.origin === 'string'
        ? `is longer than ${issue.maximum} characters`
        : issue.origin === 'array'
          ? `has more than ${issue.maximum} entries`
          : `must be at most ${issue.maximum}`
    case 'invalid_union':
      return 'is none of the forms that are known here'
    case 'invalid_format':
      return issue.message.startsWith('Invalid') ? 'is not written as it must be' : issue.message
    default:
      return issue.message
  }
}
