/** Ids that a tablet makes: also where the browser trusts the address too little to make them itself. */
export { v4 as newId } from "uuid";
