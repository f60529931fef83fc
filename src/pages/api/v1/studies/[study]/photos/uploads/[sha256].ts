import { onlyMethods } from '../../../../../../../server/http/endpoint';
import { PHOTO_UPLOADS } from '../../../../../../../server/photos';
import { uploadEndpoints } from '../../../../../../../server/uploads';

export const { PUT, DELETE } = uploadEndpoints(PHOTO_UPLOADS);

export const ALL = onlyMethods('PUT', 'DELETE');
