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
  },
};
