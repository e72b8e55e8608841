/*
 * How the layers come together: the steps in words, in the right order for the way the maker works.
 */
export { assemblySteps, type AssemblyLayer, type AssemblyStep } from './steps.js';
