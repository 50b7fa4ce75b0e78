import { etching } from '@/core/board/etch';
import { stripboard } from '@/core/board/stripboard';
import { lastKept, lastKeptSteps } from './last-kept';

/** Boards as last laid out: an edit that moves no part of one leaves it. */
export const strips = lastKept(stripboard);
export const tracks = lastKeptSteps(etching);
