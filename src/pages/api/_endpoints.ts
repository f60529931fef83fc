import { endpointsOf } from '../../server/api/openapi';

/** Every endpoint of the API, as its file describes it; what tells of them is none of them. */
export const ENDPOINTS = endpointsOf(
  import.meta.glob<object>(['./v1/**/*.ts', '!./v1/openapi.json.ts'], { eager: true }),
);
