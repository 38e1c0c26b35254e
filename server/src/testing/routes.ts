import { actOf, RESOURCES, type Route } from '@dial-gauge/contract';

/** Every route by its name, with what it is that it does. */
export const ROUTES = Object.entries(RESOURCES).flatMap(([resource, routes]) =>
  Object.entries(routes as Record<string, Route>).map(([name, route]) => ({ name: `${resource}.${name}`, route, act: actOf(route) })),
);
