package org.ysthmos.app;

import java.util.TimeZone;
import org.apache.ibatis.annotations.Mapper;
import org.mybatis.spring.annotation.MapperScan;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;

/** Starts the application. */
@SpringBootApplication
@ConfigurationPropertiesScan
@MapperScan(annotationClass = Mapper.class)
public class YsthmosApplication {

  public static void main(String[] args) {
    // Nothing may depend on the machine's zone: where one is needed it is stated.
    TimeZone.setDefault(TimeZone.getTimeZone("UTC"));
    SpringApplication.run(YsthmosApplication.class, args);
  }
}
