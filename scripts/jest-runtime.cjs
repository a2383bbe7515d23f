// What test files get when they import. The large packages of the server are loaded once for all files that a process runs, as a running server loads
// them once; each file had waited a second for them. Our own modules are still each file's own.
const Runtime = require('jest-runtime').default;

const SHARED = new Set([
  ...['sequelize', 'sqlite3', 'umzug', 'express', 'yup', 'piscina'],
  ...['pdf-lib', '@pdf-lib/fontkit', 'bwip-js', 'papaparse', 'saxes'],
]);

exports.__esModule = true;
exports.default = class extends Runtime {
  constructor(config, environment, ...rest) {
    super(config, environment, ...rest);
    // A browser's context has other arrays and dates than the process.
    this.isOfProcess = environment.global === globalThis;
  }

  requireModuleOrMock(from, name) {
    return this.isOfProcess && SHARED.has(name) ? require(name) : super.requireModuleOrMock(from, name);
  }
};
