import { Document, Image, Page, Text, View } from '@react-pdf/renderer';
import type { PhotoView } from '../../formats/views';
import { noteOf, rowsOf } from '../posts/rows';
import { scaleFor } from '../posts/scale';
import { reportFacts } from './facts';
import { fileReport, payerReport, type ReportView, type Section, type Voice } from '../../formats/job-report';
import { COLOURS, Posts, styles, Table } from './pdf-parts';

/** A photo as it goes into the document. */
export interface ReportPhoto extends PhotoView {
  readonly jpeg: Buffer;
}

/** The report of a job in one of its two voices: A4. Needs Node. */
export function JobPdf({ view, voice, photos }: { view: ReportView; voice: Voice; photos: readonly ReportPhoto[] }) {
  return voice === 'payer' ? <ForPayer view={view} photos={photos} /> : <ForFile view={view} photos={photos} />;
}

const foot = (view: ReportView) => (
  <View style={styles.foot} fixed>
    <Text>{`${view.job.unit.fleetNumber}, job ${view.job.job.number}`}</Text>
    <Text render={({ pageNumber, totalPages }) => `${pageNumber} / ${totalPages}`} />
  </View>
);

function ForPayer({ view, photos }: { view: ReportView; photos: readonly ReportPhoto[] }) {
  const report = payerReport(view);
  const picture = photos.find((p) => p.id === report.picture);
  return (
    <Document
      title={report.title}
      subject={view.job.job.complaint}
      creator="Mudflat"
      language="en-GB"
      pageMode="useOutlines"
    >
      <Page size="A4" style={[styles.page, { fontSize: 11 }]} bookmark={report.title}>
        <Text style={styles.title}>{report.title}</Text>
        <Text style={{ color: '#565e5b' }}>{report.unit}</Text>
        {report.sections.slice(0, 3).map((s) => (
          <Part key={s.title} section={s} />
        ))}
        {picture && (
          <View style={{ marginTop: 8 }} wrap={false}>
            <Image
              src={{ data: picture.jpeg, format: 'jpg' }}
              style={{ maxHeight: 200, objectFit: 'contain', alignSelf: 'flex-start' }}
            />
            <Text style={{ fontSize: 8, color: '#565e5b' }}>{picture.name}</Text>
          </View>
        )}
        {!picture && <Convicting view={view} />}
        {report.sections.slice(3).map((s) => (
          <Part key={s.title} section={s} />
        ))}
        {report.cost && (
          <View style={{ marginTop: 10 }} wrap={false}>
            <Text style={[styles.bold, { fontSize: 13 }]}>What it costs</Text>
            {report.cost.lines.map(([text, how, sum], i) => (
              <View key={i} style={styles.row}>
                <Text style={{ flex: 1 }}>{text}</Text>
                <Text style={{ width: 130, textAlign: 'right' }}>{how}</Text>
                <Text style={{ width: 100, textAlign: 'right' }}>{sum}</Text>
              </View>
            ))}
            <View style={styles.row}>
              <Text style={[styles.bold, { flex: 1 }]}>In all</Text>
              <Text style={[styles.bold, { width: 130, textAlign: 'right' }]}>{report.cost.total}</Text>
            </View>
            <Text>{report.cost.answer}</Text>
          </View>
        )}
        {foot(view)}
      </Page>
    </Document>
  );
}

/** Without a photo the readings are the picture: the posts of the first test that found something. */
function Convicting({ view }: { view: ReportView }) {
  const run = view.runs.find((r) => r.judgement.suspects.length > 0);
  if (!run) return null;
  const readings = new Map(run.judgement.readings.map((r) => [r.position, r]));
  return (
    <View style={{ marginTop: 8 }} wrap={false}>
      <Text
        style={{ fontSize: 8, color: '#565e5b' }}
      >{`${run.definition.name}: the marks out of the band are out of their limits.`}</Text>
      {rowsOf(run.unit.engine, run.definition).map((r) => (
        <Posts
          key={r.title}
          row={r}
          note=""
          readings={readings}
          limits={run.specification.limits}
          scale={scaleFor(run.specification.limits)}
        />
      ))}
    </View>
  );
}

const Part = ({ section }: { section: Section }) => (
  <View style={{ marginTop: 10 }}>
    <Text style={[styles.bold, { fontSize: 13, lineHeight: 1.3, marginBottom: 1 }]} minPresenceAhead={30}>
      {section.title}
    </Text>
    {section.lines.map((l, i) => (
      <Text key={i} style={{ marginTop: 2 }}>
        {l}
      </Text>
    ))}
  </View>
);

const STATES = {
  done: [COLOURS.eelgrass, 'done'],
  open: [COLOURS.ochre, 'open'],
  failed: [COLOURS.rust, 'failed'],
} as const;

function ForFile({ view, photos }: { view: ReportView; photos: readonly ReportPhoto[] }) {
  const report = fileReport(view);
  return (
    <Document
      title={report.title}
      subject={view.job.job.complaint}
      creator="Mudflat"
      language="en-GB"
      pageMode="useOutlines"
    >
      <Page size="A4" style={styles.page} bookmark={report.title}>
        <Text style={styles.title}>{report.title}</Text>
        {report.facts.map(([name, value], i) => (
          <View key={i} style={styles.fact}>
            <Text style={styles.name}>{name}</Text>
            <Text style={{ flex: 1 }}>{value}</Text>
          </View>
        ))}
        {report.sections.map((s) => (
          <Part key={s.title} section={s} />
        ))}
        <View style={{ marginTop: 10 }}>
          <Text style={[styles.bold, { fontSize: 13, lineHeight: 1.3, marginBottom: 1 }]} minPresenceAhead={30}>
            Proof
          </Text>
          {report.checks.map((c) => (
            <View key={c.id} style={styles.fact}>
              <Text style={[styles.bold, { width: 40, color: STATES[c.state][0] }]}>{STATES[c.state][1]}</Text>
              <Text style={{ flex: 1 }}>{`${c.label}. ${c.why}`}</Text>
            </View>
          ))}
        </View>
        {foot(view)}
      </Page>
      {view.runs.map((run) => {
        const facts = reportFacts(run);
        const rows = rowsOf(run.unit.engine, run.definition);
        const readings = new Map(run.judgement.readings.map((r) => [r.position, r]));
        return (
          <Page key={run.id} size="A4" style={styles.page} bookmark={facts.title}>
            <Text style={[styles.title, { fontSize: 14 }]}>{facts.title}</Text>
            {facts.facts.slice(4).map(([name, value]) => (
              <View key={name} style={styles.fact}>
                <Text style={styles.name}>{name}</Text>
                <Text style={{ flex: 1 }}>{value}</Text>
              </View>
            ))}
            {facts.unconfirmed.length > 0 && (
              <Text style={[styles.bold, { color: COLOURS.ochre }]}>
                Not confirmed: {facts.unconfirmed.join(', ')}.
              </Text>
            )}
            {rows.map((r, i) => (
              <Posts
                key={r.title}
                row={r}
                note={noteOf(run.unit.engine, i, rows.length, run.definition)}
                readings={readings}
                limits={run.specification.limits}
                scale={scaleFor(run.specification.limits)}
              />
            ))}
            <Text style={[styles.bold, { fontSize: 11, marginTop: 6 }]}>{run.judgement.summary}</Text>
            <Table report={facts} />
            {facts.corrections.map((c) => (
              <Text key={c} style={{ marginTop: 2 }}>
                Correction. {c}
              </Text>
            ))}
            {foot(view)}
          </Page>
        );
      })}
      {photos.length > 0 && (
        <Page size="A4" style={styles.page} bookmark="Photos">
          <Text style={[styles.title, { fontSize: 14 }]}>Photos</Text>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
            {photos.map((p) => (
              <View key={p.id} style={{ width: 250 }} wrap={false}>
                <Image src={{ data: p.jpeg, format: 'jpg' }} style={{ maxHeight: 180, objectFit: 'contain' }} />
                <Text style={{ fontSize: 8 }}>{`${p.name}, ${p.by}`}</Text>
              </View>
            ))}
          </View>
          {foot(view)}
        </Page>
      )}
      <Page size="A4" style={styles.page} bookmark="Trail">
        <Text style={[styles.title, { fontSize: 14 }]}>Trail</Text>
        <Text style={{ marginBottom: 4 }}>{report.head}</Text>
        {chunks(report.trail, 40).map((c, i) => (
          <Text key={i} style={{ fontSize: 7, marginBottom: 3 }}>
            {c.join('; ')}
          </Text>
        ))}
        {foot(view)}
      </Page>
    </Document>
  );
}

const chunks = <T,>(all: readonly T[], size: number): T[][] =>
  Array.from({ length: Math.ceil(all.length / size) }, (_, i) => all.slice(i * size, (i + 1) * size));
