import type { Report } from '@tersum/document';
import { XMLBuilder } from 'fast-xml-parser';

/** Namespaces as ISO 16684-1 and its part 2 fix them: other names would be read by nobody. */
const NAMESPACES = {
  x: 'adobe:ns:meta/',
  rdf: 'http://www.w3.org/1999/02/22-rdf-syntax-ns#',
  xmp: 'http://ns.adobe.com/xap/1.0/',
  xmpMM: 'http://ns.adobe.com/xap/1.0/mm/',
  stEvt: 'http://ns.adobe.com/xap/1.0/sType/ResourceEvent#',
  xmpRights: 'http://ns.adobe.com/xap/1.0/rights/',
} as const;

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
  // In the order in which it was done.
  if (report.prepared.length) events.unshift(`prepared: ${report.prepared.join(', ')}`);
  if (report.tones.length) events.push(`tone: ${report.tones.map((t) => t.name).join(', ')}`);
  if (report.framed) events.push('straightened or cropped');
  const packet = {
    'x:xmpmeta': {
      '@xmlns:x': NAMESPACES.x,
      'rdf:RDF': {
        '@xmlns:rdf': NAMESPACES.rdf,
        'rdf:Description': {
          '@rdf:about': '',
          '@xmlns:xmp': NAMESPACES.xmp,
          '@xmlns:xmpMM': NAMESPACES.xmpMM,
          '@xmlns:stEvt': NAMESPACES.stEvt,
          '@xmlns:xmpRights': NAMESPACES.xmpRights,
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
