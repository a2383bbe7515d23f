// Runs before each test file. Sequelize reads the stack of an error that it makes for every query, whether that fails or not; Jest looks each of its
// lines up in a source map. An error without a message is one that nobody is told of.
const withSources = Error.prepareStackTrace;
if (withSources)
  Error.prepareStackTrace = (error, frames) =>
    error.message === '' ? String(error) : withSources(error, frames);
