const config = {
  testEnvironment: 'node',
  roots: ['<rootDir>/src', '<rootDir>/scripts', '<rootDir>/hostile'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  transform: {
    '^.+\\.(m?[jt]sx?)$': [
      '@swc/jest',
      { jsc: { target: 'es2022', parser: { syntax: 'typescript', tsx: true } } },
    ],
  },
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  // dinero.js ships ES modules only.
  transformIgnorePatterns: ['/node_modules/(?!dinero\\.js/)'],
  testTimeout: 30000,
};

export default config;
