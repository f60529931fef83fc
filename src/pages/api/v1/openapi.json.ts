import packageInfo from '../../../../package.json';
import { openApi } from '../../../server/api/openapi';
import { endpoint, onlyMethods } from '../../../server/http/endpoint';
import { json } from '../../../server/http/problem';
import { ENDPOINTS } from '../_endpoints';

const document = openApi(ENDPOINTS, packageInfo.version);

export const GET = endpoint({ says: 'The API as OpenAPI 3.1.' }, () =>
  Promise.resolve(json(document)),
);

export const ALL = onlyMethods('GET');
