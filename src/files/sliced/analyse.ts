import { ToolpathAnalysis, type AnalysisOptions, type ToolpathFacts } from '../../core/toolpath';
import { openSlicedFile } from './open';

/**
 * Reads a sliced file on disk from end to end.
 *
 * @param onProgress told the bytes of text that were read, and the file's size as stored
 * @throws SlicedFileError, NoMotionError
 */
export async function analyseFile(
  path: string,
  options: Omit<AnalysisOptions, 'file'> = {},
  onProgress?: (read: number, stored: number) => void,
): Promise<ToolpathFacts> {
  const { name, bytes, text } = await openSlicedFile(path);
  const analysis = new ToolpathAnalysis({ file: name, ...options });
  for await (const chunk of text) {
    analysis.push(chunk);
    onProgress?.(analysis.bytesRead, bytes);
  }
  return analysis.end(bytes);
}
