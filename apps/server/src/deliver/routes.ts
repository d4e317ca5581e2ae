import { exportInputSchema, type Verdict } from '@zinc/contract';
import { fillName, plainName, uniqueNames } from '@zinc/core';
import { inArray } from 'drizzle-orm';
import { stringify } from 'csv-stringify/sync';
import sharp from 'sharp';
import { object, string } from 'yup';
import { ZipFile } from 'yazl';
import { ProblemError } from '../http/problemError.ts';
import { EVERYONE, route } from '../http/route.ts';
import { houseName } from '../house/service.ts';
import { bareProof, describeRun } from '../runs/service.ts';
import { styleReferences } from '../shelf/tables.ts';
import { ticketXmp, type Rights } from './xmp.ts';

const exportQuery = object({ verdicts: string().default('keep'), naming: string().default('{{subject}}-{{look}}-{{take}}') });

export const deliverRoutes = [
  route({
    method: 'get',
    path: '/runs/:id/export.zip',
    roles: EVERYONE,
    summary:
      'The chosen proofs of a run as a ZIP: PNGs with ticket, rights and digital source type inside (XMP), manifest.json, manifest.csv',
    query: ['verdicts', 'naming'],
    produces: 'application/zip',
    async handle({ context, params, query, res, person }) {
      const asked = await exportQuery.validate(query);
      const { verdicts, naming } = await exportInputSchema.validate({
        verdicts: asked.verdicts.split(','),
        naming: asked.naming,
      });
      const detail = await describeRun(context, params.id);
      const chosen = detail.cells.flatMap(cell =>
        cell.takes
          .filter(t => t.proof?.decision?.verdict && verdicts.includes(t.proof.decision.verdict as Verdict))
          .map(t => ({ cell, take: t, proof: t.proof! })),
      );
      if (chosen.length === 0)
        throw new ProblemError('notPossible', 'No proof of this run has such a decision yet, so there is nothing to export.', {
          field: 'verdicts',
        });
      const names = chosen.map(({ cell, take, proof }) => {
        const filled = fillName(naming, {
          run: detail.run.name,
          subject: cell.subject.label,
          look: cell.look.name,
          take: take.take,
          seed: take.seed,
          format: detail.format.name,
          grade: proof.decision?.grade ?? null,
        });
        if ('fault' in filled) throw new ProblemError('badInput', filled.fault, { field: 'naming' });
        return filled.name;
      });
      const files = uniqueNames(names).map(n => `${n}.png`);
      const owner = (await houseName(context)) ?? '';
      const zip = new ZipFile();
      res.type('application/zip').setHeader('Content-Disposition', `attachment; filename="${plainName(detail.run.name)}.zip"`);
      zip.outputStream.pipe(res);
      const manifest = [];
      for (let i = 0; i < chosen.length; i++) {
        // A reader who went away ends the work.
        if (res.destroyed) return;
        const { cell, take } = chosen[i];
        const proof = await bareProof(context, chosen[i].proof.id);
        const rights = await rightsOf(owner, proof.sources);
        const xmp = ticketXmp(proof.ticket, proof.ticketHash, rights);
        const png = await sharp(await context.store.read(proof.pictureSha))
          .withXmp(xmp)
          .png({ compressionLevel: 6 })
          .toBuffer();
        zip.addBuffer(png, files[i], { compress: false });
        manifest.push({
          file: files[i],
          subject: cell.subject.label,
          look: cell.look.name,
          lookVersion: cell.look.version,
          take: take.take,
          seed: take.seed,
          text: proof.ticket.text.final,
          avoid: proof.ticket.text.avoid,
          verdict: chosen[i].proof.decision!.verdict,
          grade: chosen[i].proof.decision!.grade,
          decidedBy: chosen[i].proof.decision!.person,
          drift: proof.drift,
          width: proof.width,
          height: proof.height,
          pixelHash: proof.pixelHash,
          ticketHash: proof.ticketHash,
          rights,
          ticket: proof.ticket,
        });
      }
      const head = {
        house: owner,
        run: detail.run.name,
        exportedBy: person.name,
        exportedAt: new Date().toISOString(),
        leftOut: detail.leftOut,
      };
      zip.addBuffer(Buffer.from(JSON.stringify({ manifest: 1, ...head, images: manifest }, null, 2)), 'manifest.json');
      const rows = manifest.map(({ ticket: _, rights: __, drift: d, avoid, ...row }) => ({
        ...row,
        avoid: avoid.join(', '),
        drift: d ? d.total.toFixed(2) : '',
      }));
      zip.addBuffer(Buffer.from(stringify(rows, { header: true, escape_formulas: true })), 'manifest.csv');
      zip.end();

      async function rightsOf(holder: string, sources: { kind: string; sha256: string | null }[]): Promise<Rights> {
        const hashes = sources.flatMap(s => (s.kind === 'reference' && s.sha256 ? [s.sha256] : []));
        if (hashes.length === 0) return { owner: holder, sources: [] };
        const found = await context.db
          .select({
            name: styleReferences.name,
            credit: styleReferences.credit,
            licence: styleReferences.licence,
            licenceEnds: styleReferences.licenceEnds,
          })
          .from(styleReferences)
          .where(inArray(styleReferences.sha256, hashes));
        return { owner: holder, sources: found };
      }
    },
  }),
];
