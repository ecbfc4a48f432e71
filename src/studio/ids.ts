import { z } from 'zod';

const Id = z.uuid();

/** Whether a text can be the id of anything here; PostgreSQL would stumble over others. */
export const isId = (id: string): boolean => Id.safeParse(id).success;
