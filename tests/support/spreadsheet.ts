import { strToU8, zipSync } from 'fflate';

const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');

/** A spreadsheet of one sheet (ISO/IEC 29500): numbers as numbers, everything else as text. */
export function spreadsheet(rows: readonly (readonly (string | number)[])[]): Uint8Array {
  const main = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
  const relations = 'http://schemas.openxmlformats.org/package/2006/relationships';
  const office = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
  const types = 'application/vnd.openxmlformats-officedocument.spreadsheetml';
  const cells = rows.map(
    (row, at) =>
      `<row r="${at + 1}">${row
        .map((cell, column) => {
          const name = `${String.fromCharCode(65 + column)}${at + 1}`;
          return typeof cell === 'number'
            ? `<c r="${name}"><v>${cell}</v></c>`
            : `<c r="${name}" t="inlineStr"><is><t>${escaped(cell)}</t></is></c>`;
        })
        .join('')}</row>`,
  );
  const files = {
    '[Content_Types].xml':
      '<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default ' +
      'Extension="rels" ' +
      'ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default ' +
      'Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ' +
      `ContentType="${types}.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ` +
      `ContentType="${types}.worksheet+xml"/></Types>`,
    '_rels/.rels':
      `<Relationships xmlns="${relations}"><Relationship Id="rId1" ` +
      `Type="${office}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    'xl/workbook.xml':
      `<workbook xmlns="${main}" xmlns:r="${office}"><sheets><sheet name="Readings" sheetId="1" ` +
      'r:id="rId1"/></sheets></workbook>',
    'xl/_rels/workbook.xml.rels':
      `<Relationships xmlns="${relations}"><Relationship Id="rId1" Type="${office}/worksheet" ` +
      'Target="worksheets/sheet1.xml"/></Relationships>',
    'xl/worksheets/sheet1.xml': `<worksheet xmlns="${main}"><sheetData>${cells.join('')}</sheetData></worksheet>`,
  };
  return zipSync(
    Object.fromEntries(
      Object.entries(files).map(([name, text]) => [
        name,
        strToU8(`<?xml version="1.0" encoding="UTF-8" standalone="yes"?>${text}`),
      ]),
    ),
  );
}
