import { Document, Page, Text, View } from '@react-pdf/renderer';
import type { RunView } from '../../formats/views';
import { noteOf, rowsOf } from '../posts/rows';
import { scaleFor } from '../posts/scale';
import { reportFacts } from './facts';
import { COLOURS, Posts, styles, Table } from './pdf-parts';

/** The printed result of a test run: A4, one page for engines up to eight cylinders. Needs Node: fonts are read from disk. */
export function RunPdf({ view }: { view: RunView }) {
  const report = reportFacts(view);
  const rows = rowsOf(view.unit.engine, view.definition);
  const { limits } = view.specification;
  const readings = new Map(view.judgement.readings.map((r) => [r.position, r]));
  return (
    <Document title={report.title} subject={view.judgement.summary} creator="Mudflat" language="en-GB">
      <Page size="A4" style={styles.page}>
        <Text style={styles.title}>{report.title}</Text>
        {report.facts.map(([name, value]) => (
          <View key={name} style={styles.fact}>
            <Text style={styles.name}>{name}</Text>
            <Text style={{ flex: 1 }}>{value}</Text>
          </View>
        ))}
        {report.unconfirmed.length > 0 && (
          <Text style={[styles.bold, { color: COLOURS.ochre }]}>Not confirmed: {report.unconfirmed.join(', ')}.</Text>
        )}
        {rows.map((r, i) => (
          <Posts
            key={r.title}
            row={r}
            note={noteOf(view.unit.engine, i, rows.length, view.definition)}
            readings={readings}
            limits={limits}
            scale={scaleFor(limits)}
          />
        ))}
        <View style={styles.box}>
          <Text style={[styles.bold, { fontSize: 11 }]}>{view.judgement.summary}</Text>
          {view.judgement.advice.map((a) => (
            <Text key={a} style={{ marginTop: 2 }}>
              {a}
            </Text>
          ))}
        </View>
        <Table report={report} />
        {report.corrections.map((c) => (
          <Text key={c} style={{ marginTop: 2 }}>
            Correction. {c}
          </Text>
        ))}
        <View style={styles.caution} wrap={false}>
          <Text style={styles.bold}>Caution</Text>
          {report.cautions.map((c) => (
            <Text key={c}>{c}</Text>
          ))}
        </View>
        <View style={styles.foot} fixed>
          <Text>{`${view.unit.fleetNumber}, job ${view.job.number}, test run ${view.id}`}</Text>
          <Text render={({ pageNumber, totalPages }) => `${pageNumber} / ${totalPages}`} />
        </View>
      </Page>
    </Document>
  );
}
