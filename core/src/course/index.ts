export { bandAt, courseOf, standingIn, upTo, type CourseBand, type CourseStanding, type Operation } from './course.js';
export { COURSE_CAUTION, COURSES, type Course, type Milestone } from './milestones.js';
