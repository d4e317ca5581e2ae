import { canonicalJson, TICKET_VERSION, type Ticket } from '@zinc/core';
import sharp from 'sharp';

const DIGITAL_SOURCE = 'http://cv.iptc.org/newscodes/digitalsourcetype';

const escape = (text: string): string =>
  text.replace(/[&<>"']/g, c => `&#${c.charCodeAt(0)};`).replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f]/g, '');

/** Who may use an exported image, and from what it was made. */
export interface Rights {
  owner: string;
  sources: { name: string; credit: string; licence: string; licenceEnds: string | null }[];
}

/**
 * An XMP packet (ISO 16684-1) with title, rights, IPTC digital source type and the complete ticket. An image painted by code from words
 * is *algorithmic media*; one painted over a picture is *algorithmically enhanced* (IPTC NewsCodes).
 */
export function ticketXmp(ticket: Ticket, hash: string, rights: Rights): string {
  const kind = ticket.contents.length > 0 ? 'algorithmicallyEnhanced' : 'algorithmicMedia';
  const credits = rights.sources.map(s =>
    [s.name, s.credit, s.licence, s.licenceEnds ? `until ${s.licenceEnds}` : ''].filter(Boolean).join(', '),
  );
  const usage = [`© ${rights.owner}.`, credits.length > 0 ? `Style measured from: ${credits.join('; ')}.` : '']
    .filter(Boolean)
    .join(' ');
  const alt = (text: string): string => `<rdf:Alt><rdf:li xml:lang="x-default">${escape(text)}</rdf:li></rdf:Alt>`;
  return `<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?>
<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about=""
 xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmpRights="http://ns.adobe.com/xap/1.0/rights/"
 xmlns:Iptc4xmpExt="http://iptc.org/std/Iptc4xmpExt/2008-02-29/" xmlns:zinc="urn:zinc-shelf:xmp:1:">
<dc:title>${alt(`${ticket.subject.label}, ${ticket.look.name}, take ${ticket.take}`)}</dc:title>
<dc:description>${alt(ticket.text.final)}</dc:description>
<dc:rights>${alt(usage)}</dc:rights>
<xmpRights:Marked>True</xmpRights:Marked>
<xmpRights:UsageTerms>${alt(usage)}</xmpRights:UsageTerms>
<Iptc4xmpExt:DigitalSourceType>${DIGITAL_SOURCE}/${kind}</Iptc4xmpExt:DigitalSourceType>
<zinc:ticketHash>${hash}</zinc:ticketHash>
<zinc:ticket>${escape(canonicalJson(ticket))}</zinc:ticket>
</rdf:Description></rdf:RDF></x:xmpmeta>
<?xpacket end="w"?>`;
}

/** Longest packet that is looked into. */
const MOST_XMP = 4_000_000;

/** The ticket that an exported picture carries inside, or null when there is none that can be read. */
export async function ticketOfXmp(bytes: Buffer): Promise<Ticket | null> {
  const { xmp } = await sharp(bytes).metadata();
  if (!xmp || xmp.length > MOST_XMP) return null;
  const inside = /<zinc:ticket>([^<]*)<\/zinc:ticket>/.exec(xmp.toString('utf8'))?.[1];
  if (!inside) return null;
  try {
    const ticket = JSON.parse(inside.replace(/&#(\d{1,7});/g, (_, code: string) => String.fromCodePoint(Number(code)))) as Ticket;
    const whole =
      ticket.ticket === TICKET_VERSION && ticket.subject?.wording && ticket.look?.style?.amounts && ticket.format?.width;
    return whole ? ticket : null;
  } catch {
    return null;
  }
}
