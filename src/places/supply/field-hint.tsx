import { FIELD_HINTS } from '@/core/design/field-hints';

/** What a field is, what is usual and what it changes. @param name as its field carries it */
export function FieldHint({ name }: { name: string }) {
  return FIELD_HINTS[name] ?? null;
}
