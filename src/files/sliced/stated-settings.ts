import type { Settings } from '../../core/model/study';
import { StatedSettings } from '../../core/toolpath';
import { openSlicedFile } from './open';

/** The settings that a sliced file on disk states. @throws SlicedFileError */
export async function statedSettings(path: string): Promise<Settings> {
  const { text } = await openSlicedFile(path);
  const reader = new StatedSettings();
  for await (const chunk of text) reader.push(chunk);
  return reader.end();
}
