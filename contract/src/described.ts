import * as z from 'zod';

const SHAPES = new WeakMap<z.ZodType, z.ZodType>();

/**
 * A value of the core's own type, passed on as it is. Only that it is an
 * object is checked; `shape` is what the OpenAPI document says of it, and a
 * test holds the two together.
 */
export function described<T>(shape: z.ZodType): z.ZodCustom<T, T> {
  const schema = z.custom<T>((value) => typeof value === 'object' && value !== null);
  SHAPES.set(schema, shape);
  return schema;
}

/** What the document says of a value that is passed on as it is. */
export const shapeOf = (schema: unknown): z.ZodType | undefined => SHAPES.get(schema as z.ZodType);
