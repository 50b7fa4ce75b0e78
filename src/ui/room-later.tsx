import dynamic from 'next/dynamic';
import type { ComponentType } from 'react';
import { Loading, orSay } from './loading';
import { Room } from './room';

/** A room that draws much: the page answers first, what draws it comes right after. @param name read out until then */
export const roomLater = (name: string, load: () => Promise<ComponentType>) =>
  dynamic(orSay(load), {
    ssr: false,
    loading: () => (
      <Room name={name}>
        <Loading />
      </Room>
    ),
  });
