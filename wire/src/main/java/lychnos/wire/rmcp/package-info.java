/** Remote management and control protocol (DMTF DSP0136). */
package lychnos.wire.rmcp;
