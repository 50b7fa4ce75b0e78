import { NextResponse } from 'next/server';
import { designJsonSchema } from '@/core/design/json-schema';

/** The document as a JSON Schema, for other programs. */
export const GET = () =>
  NextResponse.json(designJsonSchema(), { headers: { 'content-type': 'application/schema+json' } });
