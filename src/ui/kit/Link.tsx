'use client';
import NextLink from 'next/link';
import { ComponentProps, useState } from 'react';

/**
 * A link whose page is fetched ahead when a hand points at it or the keyboard comes to it, not for standing there: what stands at the top of
 * every page would ask for all the others with each.
 */
export function Link(props: ComponentProps<typeof NextLink>) {
  const [meant, setMeant] = useState(false);
  const isMeant = () => setMeant(true);
  return <NextLink prefetch={meant ? null : false} onPointerEnter={isMeant} onFocus={isMeant} {...props} />;
}
