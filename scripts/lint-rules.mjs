/** Columns of prose: what is longer is read with a moving head. Code may be wider (.prettierrc). */
export const PROSE_COLUMNS = 110;
/** What a program reads, or nobody can break. */
const UNBROKEN = /oxlint-disable|prettier-ignore|@ts-|https?:\/\//;

/** Rules of this project's own for the linter (.oxlintrc.json). */
export default {
  meta: { name: 'mudflat' },
  rules: {
    'no-enums': {
      create: (context) => ({
        TSEnumDeclaration(node) {
          context.report({ node, message: 'A union of texts says the same.' });
        },
      }),
    },
    'comment-width': {
      create: (context) => ({
        Program() {
          for (const comment of context.sourceCode.getAllComments()) {
            const { start, end } = comment.loc;
            const lines = context.sourceCode.lines.slice(start.line - 1, end.line);
            if (lines.some((line) => line.length > PROSE_COLUMNS && !UNBROKEN.test(line)))
              context.report({ node: comment, message: `A comment is at most ${PROSE_COLUMNS} columns wide.` });
          }
        },
      }),
    },
  },
};
