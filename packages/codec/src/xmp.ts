import type { Report } from '@tersum/document';
import { XMLBuilder } from 'fast-xml-parser';

const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', format: true });

/**
 * A note of what was done to a picture, as an XMP packet (ISO 16684-1): a line of history a repair layer and one of the
 * tone steps, and the statement of alteration as the usage terms.
 */
export function xmpNote(report: Report): string {
  const events = report.layers.map(({ name, repairs }) => {
    const manners = [...new Set(repairs.map((r) => r.manner))].join(', ');
    return `${name}: ${repairs.length} ${repairs.length === 1 ? 'repair' : 'repairs'} (${manners})`;
  });
  if (report.tones.length) events.push(`tone: ${report.tones.map((t) => t.name).join(', ')}`);
  if (report.framed) events.push('straightened or cropped');
  const packet = {
    'x:xmpmeta': {
      '@xmlns:x': 'adobe:ns:meta/',
      'rdf:RDF': {
        '@xmlns:rdf': 'http://www.w3.org/1999/02/22-rdf-syntax-ns#',
        'rdf:Description': {
          '@rdf:about': '',
          '@xmlns:xmp': 'http://ns.adobe.com/xap/1.0/',
          '@xmlns:xmpMM': 'http://ns.adobe.com/xap/1.0/mm/',
          '@xmlns:stEvt': 'http://ns.adobe.com/xap/1.0/sType/ResourceEvent#',
          '@xmlns:xmpRights': 'http://ns.adobe.com/xap/1.0/rights/',
          'xmp:CreatorTool': 'Tersum',
          'xmp:MetadataDate': report.made,
          'xmpMM:OriginalDocumentID': `sha256:${report.picture.original}`,
          'xmpRights:UsageTerms': {
            'rdf:Alt': { 'rdf:li': { '@xml:lang': 'x-default', '#text': report.statement } },
          },
          'xmpMM:History': {
            'rdf:Seq': {
              'rdf:li': events.map((parameters) => ({
                '@rdf:parseType': 'Resource',
                'stEvt:action': 'edited',
                'stEvt:softwareAgent': 'Tersum',
                'stEvt:when': report.made,
                'stEvt:parameters': parameters,
              })),
            },
          },
        },
      },
    },
  };
  const id = 'W5M0MpCehiHzreSzNTczkc9d';
  return `<?xpacket begin="\uFEFF" id="${id}"?>\n${builder.build(packet)}<?xpacket end="w"?>`;
}
