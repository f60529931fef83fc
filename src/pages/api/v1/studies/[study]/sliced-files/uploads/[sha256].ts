import { onlyMethods } from '../../../../../../../server/http/endpoint';
import { SLICED_UPLOADS } from '../../../../../../../server/sliced-files';
import { uploadEndpoints } from '../../../../../../../server/uploads';

export const { PUT, DELETE } = uploadEndpoints(SLICED_UPLOADS);

export const ALL = onlyMethods('PUT', 'DELETE');
