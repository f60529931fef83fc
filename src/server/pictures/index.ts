export { LARGEST_PICTURE, openPicture, storePicture } from './pictures';
